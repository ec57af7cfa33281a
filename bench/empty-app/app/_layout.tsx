import '../global.css';
export { Slot as default } from 'expo-router';
