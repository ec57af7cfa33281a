// Where the app begins: what has to stand before any other module runs, then Expo Router.
import './src/before';
import 'expo-router/entry';
